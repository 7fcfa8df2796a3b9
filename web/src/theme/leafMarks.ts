/**
 * The marks of keys on the time sheet, painted once as small pictures: there can be thousands of them, and a picture
 * is put down far faster than a shape is drawn. They look as LeafMark does.
 */
const FAMILIES = { travel: "--travel", turn: "--turn", size: "--size-fill", look: "--look" } as const;
const SIDE = 20;
const SHARPNESS = 3;

/**
 * Add a style sheet in which `.sheet-leaf` has the picture of its lane's family, and `.sheet-leaf.picked` that of a
 * picked leaf. Plain rules, no custom properties: those would be read again for every leaf.
 */
export function paintLeafMarks(): void {
  const colours = getComputedStyle(document.documentElement);
  const colour = (name: string): string => colours.getPropertyValue(name).trim();
  const sheet = new CSSStyleSheet();
  for (const [family, token] of Object.entries(FAMILIES)) {
    const plain = painted(colour(token), colour("--paper"), null);
    const held = painted(colour(token), colour("--paper"), [colour("--playhead-pale"), colour("--playhead")]);
    sheet.insertRule(`.${family} .sheet-leaf { background-image: url(${plain}); }`);
    sheet.insertRule(`.${family} .sheet-leaf.picked { background-image: url(${held}); }`, sheet.cssRules.length);
  }
  document.adoptedStyleSheets.push(sheet);
}

function painted(blade: string, vein: string, held: readonly [string, string] | null): string {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = SIDE * SHARPNESS;
  const ctx = canvas.getContext("2d");
  if (!ctx) return "";
  ctx.scale(SHARPNESS, SHARPNESS);
  if (held) {
    ctx.beginPath();
    ctx.arc(SIDE / 2, SIDE / 2, SIDE / 2 - 1, 0, Math.PI * 2);
    [ctx.fillStyle, ctx.strokeStyle] = held;
    ctx.lineWidth = 1.5;
    ctx.fill();
    ctx.stroke();
  }
  ctx.translate(2.5, 2.5);
  ctx.scale(0.75, 0.75);
  ctx.lineJoin = ctx.lineCap = "round";
  const leaf = new Path2D("M3 17C2.5 8 8 3 17 3 17 12 12 17.5 3 17Z");
  [ctx.fillStyle, ctx.strokeStyle, ctx.lineWidth] = [blade, blade, 1.6];
  ctx.fill(leaf);
  ctx.stroke(leaf);
  [ctx.strokeStyle, ctx.lineWidth] = [vein, 1.4];
  ctx.stroke(new Path2D("M3 17 12 8"));
  return canvas.toDataURL();
}

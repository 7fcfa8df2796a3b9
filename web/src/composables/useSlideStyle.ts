/**
 * Moves all picked leaves while they are slid: one rule of a style sheet, so that a thousand of them are not drawn
 * again one by one.
 */
import { onBeforeUnmount, watch } from "vue";

export function useSlideStyle(pixels: () => number): void {
  const sheet = new CSSStyleSheet();
  sheet.insertRule(".sheet-leaf.picked {}");
  document.adoptedStyleSheets.push(sheet);
  const rule = sheet.cssRules[0] as CSSStyleRule;
  watch(pixels, (by) => (rule.style.transform = by ? `translateX(${by}px)` : ""), { flush: "sync" });
  onBeforeUnmount(() => (document.adoptedStyleSheets = document.adoptedStyleSheets.filter((one) => one !== sheet)));
}

/** Open a menu of the vine, and take the focus into it. */
export function openMenu(which: "feel" | "ends" | "rules"): void {
  const button = document.querySelector<HTMLButtonElement>(`[data-open="${which}"]`);
  if (!button || button.disabled) return;
  button.click();
  const inside = `[data-menu="${which}"] :is(input[type=search], [role=radio])`;
  const into = (left: number): void => {
    const first = [...document.querySelectorAll<HTMLElement>(inside)].find((one) => one.checkVisibility());
    if (first) first.focus();
    else if (left) requestAnimationFrame(() => into(left - 1));
  };
  requestAnimationFrame(() => into(20));
}

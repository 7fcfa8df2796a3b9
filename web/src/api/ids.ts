/** Ids that tie objects together inside a scene: drawn at random, and never shown to people. */

/** A new id of about nine to twelve letters and digits. */
export const newId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(6))].map((byte) => byte.toString(36).padStart(2, "0")).join("");

/** A new id of a rule. */
export const newRuleId = (): string => `r${newId()}`;

/**
 * What a spreadsheet would take for a formula at the beginning of a cell, over however many lines it goes: written with a stroke
 * before it. Words only: a figure below 0 is no formula.
 */
export const FORMULA = /^[=+\-@\t\r]/;

/** A phrase at the head of a sentence: "Bar 12, count 3". */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** How Node runs a program that works once for a minute and ends. */
export const FOR_ONCE: string[];

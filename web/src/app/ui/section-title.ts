/** A section as it is named on screen: a letter alone would read as the form letter of a part. */
export const sectionTitle = (name: string | null): string | null =>
  name && name.length <= 2 ? $localize`Section ${name}` : name;

/** A file name from a plan's or movement's name. */
export const fileName = (name: string, ending: string): string =>
  `${
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'plan'
  }.${ending}`;

/** Hands a file to the browser, which saves it. */
export const download = (name: string, content: BlobPart, type: string): void => {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([content], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1_000);
};

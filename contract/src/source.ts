/** Who or what took a measure; more trust is put in the later ones. */
export const SOURCES = ['self', 'other', 'device'] as const;
export type Source = (typeof SOURCES)[number];

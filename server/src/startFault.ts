/** A sentence for the person at the terminal; the command ends with it. */
export class StartFault extends Error {}

/** Thrown when what is asked for cannot be written: it names what is not there. */
export class ExportError extends Error {}

/** What the server says is wrong in a field of the form. */
export type FaultOf = (field: string) => string | undefined;

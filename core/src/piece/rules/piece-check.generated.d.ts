/** One finding of the compiled schema check. */
export interface SchemaFinding {
  readonly instancePath: string;
  readonly keyword: string;
  readonly params: Readonly<Record<string, unknown>>;
  readonly message?: string;
}

/** Does `data` fit the schema of a piece? Findings of the last call are in `errors`. */
export declare const validatePiece: ((data: unknown) => boolean) & { errors?: SchemaFinding[] | null };

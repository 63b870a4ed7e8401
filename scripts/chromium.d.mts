export function chromiumPath(): string | undefined;
export function chromiumOptions(): { readonly executablePath: string | undefined; readonly args: string[] };

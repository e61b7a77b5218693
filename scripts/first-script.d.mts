export function withImports(folder: string, script: string, found?: Set<string>): Set<string>;
export function firstScript(folder: string): number;

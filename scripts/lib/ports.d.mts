export function choosePorts<Name extends string>(wanted: Record<Name, number>): Promise<Record<Name, number>>;

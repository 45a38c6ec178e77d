/** What a site calls the things a rule refers to. Names are told apart within a site, so a sentence can stand for its rule. */
export interface Names {
  readonly campaign: (id: string) => string;
  readonly group: (id: string) => string;
}

/** Where no names are known the ids stand for themselves. */
export const NO_NAMES: Names = { campaign: (id) => id, group: (id) => id };

/** Who changes a notebook on this page in one step that has a name, as an order in lower case: “move a block”. */
export class Step {
  constructor(readonly name: string) {}
}

/** What is typed into a text of one line. */
export const typing = new Step('typing');

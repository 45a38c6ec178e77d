// Stands in for the test runner where tests are run one by one: tests are only told of, in the order in which they stand.
const each = (register) => (rows) => (name, run) => {
  rows.forEach((row, n) => {
    register(`${name} ${n + 1}`, () => (Array.isArray(row) ? run(...row) : run(row)));
  });
};
let tests = [];
let group = '';
const it = (name, run) => tests.push({ name: group + name, run });
it.each = each(it);
const describe = (name, tell) => {
  const outer = group;
  group += `${name} > `;
  tell();
  group = outer;
};
describe.each = each(describe);

/** What was told of since this was asked last. */
const takeTests = () => {
  const told = tests;
  tests = [];
  return told;
};
module.exports = { it, test: it, describe, takeTests, expect: undefined };

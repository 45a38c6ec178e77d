/** What instrumented code asks, under names that the core has not. One fault is awake at a time, or none. */
export function faults(count) {
  let awake = -1;
  /** Which places have been come to. */
  const met = new Uint8Array(count);
  const is = (id) => {
    met[id] = 1;
    return awake === id;
  };
  Object.assign(globalThis, {
    __less: (id, a, b) => (is(id) ? a <= b : a < b),
    __atMost: (id, a, b) => (is(id) ? a < b : a <= b),
    __more: (id, a, b) => (is(id) ? a >= b : a > b),
    __atLeast: (id, a, b) => (is(id) ? a > b : a >= b),
    __same: (id, a, b) => (is(id) ? a !== b : a === b),
    __other: (id, a, b) => (is(id) ? a === b : a !== b),
    __plus: (id, a, b) => (is(id) ? a - b : a + b),
    __minus: (id, a, b) => (is(id) ? a + b : a - b),
    __times: (id, a, b) => (is(id) ? a / b : a * b),
    __over: (id, a, b) => (is(id) ? a * b : a / b),
    __rest: (id, a, b) => (is(id) ? a * b : a % b),
    __and: (id, a, b) => (is(id) ? a || b() : a && b()),
    __or: (id, a, b) => (is(id) ? a && b() : a || b()),
    __value: (id, right, wrong) => (is(id) ? wrong : right),
    __not: (id, a) => (is(id) ? a : !a),
    __either: (id, a) => (is(id) ? !a : a),
    __when: (id, a) => (is(id) ? false : a),
  });
  return {
    wake(id) {
      awake = id;
    },
    sleep() {
      awake = -1;
    },
    /** The places come to since this was asked last. */
    takeMet() {
      const ids = [];
      for (let id = 0; id < count; id++) if (met[id]) ids.push(id);
      met.fill(0);
      return ids;
    },
  };
}

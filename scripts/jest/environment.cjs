// The world in which unit tests run: Jest's own for Node.js, with a global object that nobody watches. In Jest's, each
// `Math` and `Uint8Array` of a loop is looked up through a proxy; code that computes took several times as long as it does
// in the application.
const vm = require('node:vm');
const { TestEnvironment } = require('jest-environment-node');

module.exports = class extends TestEnvironment {
  constructor(config, context) {
    const { createContext } = vm;
    vm.createContext = () => createContext(vm.constants.DONT_CONTEXTIFY);
    try {
      super(config, context);
    } finally {
      vm.createContext = createContext;
    }
  }
};

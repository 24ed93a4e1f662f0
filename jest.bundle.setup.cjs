module.exports = () => require('./jest.bundle.cjs').makeAll();

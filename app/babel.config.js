module.exports = (api) => {
  // The tests run without the bundler, which loads parts of the app later by itself.
  const plugins = api.env('test') ? ['@babel/plugin-transform-dynamic-import'] : [];
  return { presets: ['babel-preset-expo'], plugins };
};

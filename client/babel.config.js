module.exports = (api) => {
  // Jest runs modules as Node's old ones, which fetch nothing later.
  const plugins = api.env('test') ? ['@babel/plugin-transform-dynamic-import'] : []
  return { presets: ['babel-preset-expo'], plugins }
}

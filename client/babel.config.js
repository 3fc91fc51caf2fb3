module.exports = (api) => {
  // What ships, and what tests load, holds only those parts of Paper that it uses.
  const plugins = ['react-native-paper/babel']
  // Jest runs modules as Node's old ones, which fetch nothing later.
  if (api.env('test')) plugins.push('@babel/plugin-transform-dynamic-import')
  return { presets: ['babel-preset-expo'], plugins }
}

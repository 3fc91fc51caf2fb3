module.exports = (api) => {
  // What ships, and what tests load, holds only those parts of Paper that it uses.
  const plugins = ['react-native-paper/babel']
  if (api.env('test'))
    plugins.unshift(
      // As Metro compiles what ships (`reactCompiler` in app.json).
      ['babel-plugin-react-compiler', { sources: (file) => !file.includes('node_modules') }],
      // Jest runs modules as Node's old ones, which fetch nothing later.
      '@babel/plugin-transform-dynamic-import',
    )
  return { presets: ['babel-preset-expo'], plugins }
}

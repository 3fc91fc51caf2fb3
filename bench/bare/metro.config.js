const { getDefaultConfig } = require('expo/metro-config')

// Made small in the same way as what it is a floor for.
const config = getDefaultConfig(__dirname)
config.transformer.minifierPath = require.resolve('../../client/minify.js')
module.exports = config

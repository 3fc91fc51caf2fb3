const { getDefaultConfig } = require('expo/metro-config')
const { createProxyMiddleware } = require('http-proxy-middleware')

const config = getDefaultConfig(__dirname)
config.resolver.assetExts.push('woff2', 'wasm')
config.transformer.minifierPath = require.resolve('./minify.js')
// A page reckons what it has imported when it first needs it, not before it shows anything: a
// quarter less work until a desk stands there. Asked for each time instead of once: what every
// component uses would cost more than it saves, and Expo's, where the scripts are from, can be told
// only while the first of them runs.
config.transformer.getTransformOptions = async () => ({
  transform: {
    experimentalImportSupport: false,
    inlineRequires: true,
    nonInlinedRequires: ['react', 'react/jsx-runtime', '../utils/getBundleUrl'],
  },
})

// While somebody works on it (npm run dev), what the page asks goes to the server beside it.
const api = process.env.NIBQUILL_API
if (api) {
  const toServer = createProxyMiddleware({ target: api, pathFilter: '/api', xfwd: true })
  config.server.enhanceMiddleware = (metro) => (request, response, next) =>
    toServer(request, response, () => metro(request, response, next))
}
module.exports = config

const { getDefaultConfig } = require('expo/metro-config')
const { createProxyMiddleware } = require('http-proxy-middleware')

const config = getDefaultConfig(__dirname)
config.resolver.assetExts.push('woff2', 'wasm')
config.transformer.minifierPath = require.resolve('./minify.js')

// While somebody works on it (npm run dev), what the page asks goes to the server beside it.
const api = process.env.NIBQUILL_API
if (api) {
  const toServer = createProxyMiddleware({ target: api, pathFilter: '/api', xfwd: true })
  config.server.enhanceMiddleware = (metro) => (request, response, next) =>
    toServer(request, response, () => metro(request, response, next))
}
module.exports = config

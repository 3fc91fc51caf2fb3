declare module '*.woff2' {
  const asset: string
  export default asset
}

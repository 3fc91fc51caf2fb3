// Takes the types out of TypeScript for Jest and leaves modules as they are.
import { transformSync } from 'esbuild'

export default {
  process: (source, file) =>
    transformSync(source, {
      loader: file.endsWith('x') ? 'tsx' : 'ts',
      format: 'esm',
      target: 'node20',
      sourcefile: file,
      sourcemap: 'inline',
    }),
}

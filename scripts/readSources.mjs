// Types and lint of one set of sources, read and understood once for both:
// node scripts/readSources.mjs TSCONFIG 'PATTERN' ['!PATTERN' ...]
import { ESLint } from 'eslint'
import path from 'node:path'
import ts from 'typescript'
import { ROOT } from './setup.mjs'

const [settings, ...patterns] = process.argv.slice(2)

const { fileNames, options } = ts.getParsedCommandLineOfConfigFile(
  path.join(ROOT, settings),
  {},
  {
    ...ts.sys,
    onUnRecoverableConfigFileDiagnostic: ({ messageText }) => {
      throw new Error(ts.flattenDiagnosticMessageText(messageText, '\n'))
    },
  },
)
const program = ts.createProgram({ rootNames: fileNames, options })
const faults = ts.getPreEmitDiagnostics(program)
if (faults.length > 0)
  console.error(
    ts.formatDiagnostics(faults, {
      getCurrentDirectory: () => ROOT,
      getCanonicalFileName: (name) => name,
      getNewLine: () => '\n',
    }),
  )

const eslint = new ESLint({
  cwd: ROOT,
  overrideConfig: [
    { ignores: patterns.filter((one) => one.startsWith('!')).map((one) => one.slice(1)) },
    {
      files: ['**/*.{ts,tsx}'],
      languageOptions: { parserOptions: { project: null, programs: [program] } },
    },
  ],
})
const results = await eslint.lintFiles(patterns.filter((one) => !one.startsWith('!')))
const spoiled = results.some(({ errorCount, warningCount }) => errorCount + warningCount > 0)
if (spoiled) console.error(await (await eslint.loadFormatter('stylish')).format(results))

process.exitCode = faults.length > 0 || spoiled ? 1 : 0

import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { Marked } from 'marked'
import type { Plugin } from 'vite'

const SOURCE = resolve(import.meta.dirname, '../../docs/method.md')

/** Headings such as "## 6.1 Resistance" get the anchor m6-1, which the working links to. */
function page(): string {
  const marked = new Marked({
    renderer: {
      heading({ tokens, depth, text }) {
        const number = /^(\d+)(?:\.(\d+))?/.exec(text)
        const id = number ? ` id="m${number[1]}${number[2] ? `-${number[2]}` : ''}"` : ''
        return `<h${depth}${id}>${this.parser.parseInline(tokens)}</h${depth}>\n`
      },
    },
  })
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8" />
<meta name="viewport" content="width=device-width, initial-scale=1" />
<link rel="icon" href="data:," />
<link rel="stylesheet" href="method.css" />
<title>How Inky Badger works it out</title>
</head>
<body>
<main>
${marked.parse(readFileSync(SOURCE, 'utf8'))}
</main>
</body>
</html>
`
}

/** Puts docs/method.md beside the application as a page, so that every equation can point to its formula. */
export function methodPage(): Plugin {
  return {
    name: 'method-page',
    generateBundle() {
      this.emitFile({ type: 'asset', fileName: 'method.html', source: page() })
    },
  }
}

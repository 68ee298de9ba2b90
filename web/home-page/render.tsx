import { renderToString } from 'react-dom/server'
import { type First, firstId } from './first.ts'
import { HomePage } from './home-page.tsx'

/** The home page as the server first writes it: its markup, and what the page goes on from. */
export const renderHome = (first: First): string =>
  `<div id="app">${renderToString(<HomePage first={first} />)}</div>` +
  `<script type="application/json" id="${firstId}">${JSON.stringify(first).replaceAll('<', '\\u003c')}</script>`

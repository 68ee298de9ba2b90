import { StrictMode } from 'react'
import { createRoot, hydrateRoot } from 'react-dom/client'
import { type First, firstId } from './first.ts'
import { HomePage } from './home-page.tsx'
import './home.css'

const root = document.getElementById('app')!
const written = document.getElementById(firstId)?.textContent
const first: First = written
  ? (JSON.parse(written) as First)
  : { token: window.location.pathname.split('/')[2] ?? '', packs: null, pack: null, problem: null }
const page = (
  <StrictMode>
    <HomePage first={first} />
  </StrictMode>
)
if (written) hydrateRoot(root, page)
else createRoot(root).render(page)

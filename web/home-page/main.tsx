import { StrictMode } from 'react'
import { hydrateRoot } from 'react-dom/client'
import { noted } from '../noted.ts'
import { type First, firstId } from './first.ts'
import { HomePage } from './home-page.tsx'
import { keepPage } from './offline.ts'
import './home.css'

const first = JSON.parse(document.getElementById(firstId)!.textContent) as First
hydrateRoot(
  document.getElementById('app')!,
  <StrictMode>
    <HomePage first={first} />
  </StrictMode>,
)
if (!first.preview) keepPage(first).catch(noted('the page could not be kept for later'))

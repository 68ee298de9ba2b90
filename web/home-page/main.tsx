import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { HomePage } from './home-page.tsx'
import '../styles.css'

createRoot(document.getElementById('app')!).render(
  <StrictMode>
    <HomePage />
  </StrictMode>,
)

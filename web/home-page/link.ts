import { createContext, useContext } from 'react'

/** The private link this page was opened by, without its address. */
export const Link = createContext('')
export const useLink = (): string => useContext(Link)

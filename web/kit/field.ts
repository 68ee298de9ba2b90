/** How a field of a form looks: text, numbers. Lists to choose from are `Select`, days are `DateField`. */
export const fieldLook = 'min-h-10 rounded-lg border border-hair bg-card px-2.5'

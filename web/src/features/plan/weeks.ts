export const dayNames = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
export const dayKeys = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']

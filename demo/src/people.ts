/** The pupils of Saltmarsh Primary School: all made up. */
export const HERON = [
  'Wren A', 'Tomasz L', 'Ifeoma B', 'Sorcha D', 'Anwen P', 'Kofi M', 'Ravi S', 'Elif Y', 'Jonah T', 'Mei C', 'Nadia H', 'Oscar F',
  'Zuzanna K', 'Idris W', 'Thea G', 'Bilal R', 'Hana O', 'Ewan N', 'Soraya V', 'Luca E', 'Amara J', 'Fergus I', 'Linh Q', 'Petra U',
] // prettier-ignore
export const PLOVER = [
  'Aoife B', 'Mateo R', 'Yusuf K', 'Greta S', 'Dylan M', 'Saoirse L', 'Kavya P', 'Noor A', 'Felix T', 'Ines C', 'Caleb W', 'Bronwyn H',
  'Emeka O', 'Lotte V', 'Arjun D', 'Mabli E', 'Stefan G', 'Zahra I', 'Rory F', 'Miriam N', 'Tariq J', 'Orla Q', 'Xavier U', 'Daisuke Y',
] // prettier-ignore

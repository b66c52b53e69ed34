/** How large a picture’s file may be, apart from what opens it: who only refuses needs none of that. */
export const mostPictureBytes = { emote: 2 * 1024 * 1024, prop: 8 * 1024 * 1024 };

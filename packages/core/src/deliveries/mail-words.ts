/** What mails and the pages behind their links say of themselves. `{site}` is the site's name. */
export interface MailWords {
  /** The button by which an address is confirmed, on the page behind the mail as in the mail. */
  readonly confirm: string;
  readonly leave: string;
  /** Why somebody gets it. */
  readonly asked: string;
  readonly answered: string;
  readonly askConfirm: PageWords;
  readonly askLeave: PageWords;
  readonly confirmed: PageWords;
  readonly confirmedBefore: PageWords;
  readonly ended: PageWords;
  readonly left: PageWords;
  readonly leftBefore: PageWords;
  readonly nothing: PageWords;
}
type PageWords = readonly [title: string, text: string];

const ENGLISH: MailWords = {
  confirm: 'Yes, that was me',
  leave: 'Unsubscribe',
  asked:
    'You get this because this address was written into a form of {site}. If it was not you, do nothing: nothing more is sent.',
  answered: 'You get this because you answered a form of {site}.',
  askConfirm: ['One press more', 'Press the button and {site} knows that this address is yours.'],
  askLeave: ['Unsubscribe?', '{site} will not write to you any more.'],
  confirmed: ['Confirmed', 'Thank you. {site} knows now that this address is yours.'],
  confirmedBefore: ['Confirmed already', '{site} knows that this address is yours.'],
  ended: ['This link has ended', 'Write your address into the form of {site} once more to get a new one.'],
  left: ['Unsubscribed', '{site} will not write to you any more.'],
  leftBefore: ['Unsubscribed already', '{site} does not write to you any more.'],
  nothing: ['Nothing here', 'This link leads nowhere, or what it was for is gone.'],
};

/** In the languages that come with Velarium, from memory: no native speaker has read them yet. */
const WORDS: Readonly<Record<string, MailWords>> = {
  en: ENGLISH,
  cy: {
    confirm: 'Ie, fi oedd hwnnw',
    leave: 'Dad-danysgrifio',
    asked:
      'Rydych yn cael hwn am fod y cyfeiriad hwn wedi’i ysgrifennu mewn ffurflen gan {site}. Os nad chi oedd hynny, peidiwch â gwneud dim: ni anfonir dim mwy.',
    answered: 'Rydych yn cael hwn am i chi ateb ffurflen gan {site}.',
    askConfirm: ['Un cam arall', 'Pwyswch y botwm a bydd {site} yn gwybod mai chi biau’r cyfeiriad hwn.'],
    askLeave: ['Dad-danysgrifio?', 'Ni fydd {site} yn ysgrifennu atoch eto.'],
    confirmed: ['Wedi’i gadarnhau', 'Diolch. Mae {site} yn gwybod nawr mai chi biau’r cyfeiriad hwn.'],
    confirmedBefore: ['Wedi’i gadarnhau eisoes', 'Mae {site} yn gwybod mai chi biau’r cyfeiriad hwn.'],
    ended: [
      'Mae’r ddolen hon wedi dod i ben',
      'Ysgrifennwch eich cyfeiriad yn ffurflen {site} unwaith eto i gael un newydd.',
    ],
    left: ['Wedi dad-danysgrifio', 'Ni fydd {site} yn ysgrifennu atoch eto.'],
    leftBefore: ['Wedi dad-danysgrifio eisoes', 'Nid yw {site} yn ysgrifennu atoch mwyach.'],
    nothing: [
      'Dim byd yma',
      'Nid yw’r ddolen hon yn arwain i unman, neu mae’r hyn yr oedd ar ei gyfer wedi mynd.',
    ],
  },
  de: {
    confirm: 'Ja, das war ich',
    leave: 'Abmelden',
    asked:
      'Sie bekommen dies, weil diese Adresse in ein Formular von {site} geschrieben wurde. Waren Sie es nicht, tun Sie nichts: Es wird nichts weiter geschickt.',
    answered: 'Sie bekommen dies, weil Sie ein Formular von {site} beantwortet haben.',
    askConfirm: ['Noch ein Druck', 'Drücken Sie den Knopf, und {site} weiß, dass diese Adresse Ihre ist.'],
    askLeave: ['Abmelden?', '{site} wird Ihnen nicht mehr schreiben.'],
    confirmed: ['Bestätigt', 'Danke. {site} weiß jetzt, dass diese Adresse Ihre ist.'],
    confirmedBefore: ['Schon bestätigt', '{site} weiß, dass diese Adresse Ihre ist.'],
    ended: [
      'Dieser Link ist abgelaufen',
      'Schreiben Sie Ihre Adresse noch einmal in das Formular von {site}, um einen neuen zu bekommen.',
    ],
    left: ['Abgemeldet', '{site} wird Ihnen nicht mehr schreiben.'],
    leftBefore: ['Schon abgemeldet', '{site} schreibt Ihnen nicht mehr.'],
    nothing: [
      'Hier ist nichts',
      'Dieser Link führt nirgendwohin, oder das, wofür er war, gibt es nicht mehr.',
    ],
  },
  fr: {
    confirm: 'Oui, c’était moi',
    leave: 'Se désabonner',
    asked:
      'Vous recevez ceci parce que cette adresse a été écrite dans un formulaire de {site}. Si ce n’était pas vous, ne faites rien : rien d’autre ne sera envoyé.',
    answered: 'Vous recevez ceci parce que vous avez répondu à un formulaire de {site}.',
    askConfirm: ['Encore un geste', 'Appuyez sur le bouton et {site} saura que cette adresse est la vôtre.'],
    askLeave: ['Se désabonner ?', '{site} ne vous écrira plus.'],
    confirmed: ['Confirmé', 'Merci. {site} sait maintenant que cette adresse est la vôtre.'],
    confirmedBefore: ['Déjà confirmé', '{site} sait que cette adresse est la vôtre.'],
    ended: [
      'Ce lien a expiré',
      'Écrivez encore une fois votre adresse dans le formulaire de {site} pour en recevoir un nouveau.',
    ],
    left: ['Désabonné', '{site} ne vous écrira plus.'],
    leftBefore: ['Déjà désabonné', '{site} ne vous écrit plus.'],
    nothing: ['Rien ici', 'Ce lien ne mène nulle part, ou ce à quoi il servait n’existe plus.'],
  },
  es: {
    confirm: 'Sí, fui yo',
    leave: 'Darse de baja',
    asked:
      'Recibe esto porque esta dirección se escribió en un formulario de {site}. Si no fue usted, no haga nada: no se enviará nada más.',
    answered: 'Recibe esto porque respondió a un formulario de {site}.',
    askConfirm: ['Un paso más', 'Pulse el botón y {site} sabrá que esta dirección es suya.'],
    askLeave: ['¿Darse de baja?', '{site} no volverá a escribirle.'],
    confirmed: ['Confirmado', 'Gracias. {site} sabe ahora que esta dirección es suya.'],
    confirmedBefore: ['Ya confirmado', '{site} sabe que esta dirección es suya.'],
    ended: [
      'Este enlace ha caducado',
      'Escriba su dirección una vez más en el formulario de {site} para recibir uno nuevo.',
    ],
    left: ['Baja hecha', '{site} no volverá a escribirle.'],
    leftBefore: ['Ya se dio de baja', '{site} ya no le escribe.'],
    nothing: [
      'Aquí no hay nada',
      'Este enlace no lleva a ninguna parte, o aquello para lo que era ya no existe.',
    ],
  },
  pl: {
    confirm: 'Tak, to ja',
    leave: 'Wypisz się',
    asked:
      'Dostajesz tę wiadomość, ponieważ ten adres wpisano w formularzu {site}. Jeśli to nie Ty, nie rób nic: nic więcej nie zostanie wysłane.',
    answered: 'Dostajesz tę wiadomość, ponieważ odpowiedziano z tego adresu na formularz {site}.',
    askConfirm: [
      'Jeszcze jedno kliknięcie',
      'Naciśnij przycisk, a {site} będzie wiedzieć, że to Twój adres.',
    ],
    askLeave: ['Wypisać się?', '{site} nie będzie już do Ciebie pisać.'],
    confirmed: ['Potwierdzono', 'Dziękujemy. {site} wie już, że to Twój adres.'],
    confirmedBefore: ['Już potwierdzono', '{site} wie, że to Twój adres.'],
    ended: ['Ten link wygasł', 'Wpisz swój adres jeszcze raz w formularzu {site}, aby dostać nowy.'],
    left: ['Wypisano', '{site} nie będzie już do Ciebie pisać.'],
    leftBefore: ['Już wypisano', '{site} już do Ciebie nie pisze.'],
    nothing: ['Nic tu nie ma', 'Ten link donikąd nie prowadzi albo nie ma już tego, do czego służył.'],
  },
  ar: {
    confirm: 'نعم، كنت أنا',
    leave: 'إلغاء الاشتراك',
    asked:
      'تصلك هذه الرسالة لأن هذا العنوان كُتب في استمارة لدى {site}. إن لم تكن أنت فلا تفعل شيئًا: لن يُرسل شيء آخر.',
    answered: 'تصلك هذه الرسالة لأنك أجبت عن استمارة لدى {site}.',
    askConfirm: ['خطوة أخيرة', 'اضغط الزر ليعلم {site} أن هذا العنوان لك.'],
    askLeave: ['إلغاء الاشتراك؟', 'لن يكتب إليك {site} بعد الآن.'],
    confirmed: ['تم التأكيد', 'شكرًا. يعلم {site} الآن أن هذا العنوان لك.'],
    confirmedBefore: ['تم التأكيد من قبل', 'يعلم {site} أن هذا العنوان لك.'],
    ended: ['انتهت صلاحية هذا الرابط', 'اكتب عنوانك مرة أخرى في استمارة {site} لتحصل على رابط جديد.'],
    left: ['أُلغي الاشتراك', 'لن يكتب إليك {site} بعد الآن.'],
    leftBefore: ['أُلغي الاشتراك من قبل', 'لم يعد {site} يكتب إليك.'],
    nothing: ['لا شيء هنا', 'هذا الرابط لا يؤدي إلى أي مكان، أو زال ما كان من أجله.'],
  },
  he: {
    confirm: 'כן, זה הייתי אני',
    leave: 'ביטול הרשמה',
    asked:
      'הודעה זו נשלחה אליך כי כתובת זו נכתבה בטופס של {site}. אם לא היה זה אתה, אין צורך לעשות דבר: לא יישלח דבר נוסף.',
    answered: 'הודעה זו נשלחה אליך כי ענית על טופס של {site}.',
    askConfirm: ['עוד לחיצה אחת', 'לחיצה על הכפתור תודיע ל-{site} שכתובת זו שלך.'],
    askLeave: ['לבטל את ההרשמה?', '{site} לא יכתוב אליך עוד.'],
    confirmed: ['אושר', 'תודה. {site} יודע כעת שכתובת זו שלך.'],
    confirmedBefore: ['כבר אושר', '{site} יודע שכתובת זו שלך.'],
    ended: ['תוקף הקישור פג', 'יש לכתוב את הכתובת שוב בטופס של {site} כדי לקבל קישור חדש.'],
    left: ['ההרשמה בוטלה', '{site} לא יכתוב אליך עוד.'],
    leftBefore: ['ההרשמה כבר בוטלה', '{site} כבר אינו כותב אליך.'],
    nothing: ['אין כאן דבר', 'קישור זה אינו מוביל לשום מקום, או שמה שנועד לו כבר איננו.'],
  },
};

/** In this language, or the one it is a kind of; in English where it is not among them. Names the language they are in. */
export function mailWords(language: string | null): { readonly language: string; readonly words: MailWords } {
  const spoken = language?.split('-')[0] ?? 'en';
  const words = Object.hasOwn(WORDS, spoken) ? WORDS[spoken] : undefined;
  return words ? { language: spoken, words } : { language: 'en', words: ENGLISH };
}

/** Puts the site's name into words. */
export const ofSite = (words: string, siteName: string): string => words.replaceAll('{site}', () => siteName);

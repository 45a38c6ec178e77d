import type { Field, Message } from '@velarium/contract';
import { FORM_WORDS, FURTHER_WORDS, type OwnWord, type OwnWords } from '../message/own-words.ts';
import { allBlocks } from '../message/walk.ts';

type Whole = Readonly<Record<OwnWord, string>>;

/** What messages say of themselves, in the languages that come with Velarium. */
const WORDS: Readonly<Record<string, Whole>> = {
  en: { close: 'Close', ...FORM_WORDS, ...FURTHER_WORDS },
  cy: {
    close: 'Cau',
    fill: 'Llenwch hwn, os gwelwch yn dda.',
    mail: 'Ysgrifennwch ef fel enw@example.org.',
    check: 'Gwiriwch hwn, os gwelwch yn dda.',
    agree: 'Ticiwch hwn i fynd ymlaen.',
    unsent: 'Ni ellid anfon hwn. Gwiriwch eich cysylltiad a rhowch gynnig arall arni.',
    later: 'Ni ellid anfon hwn. Rhowch gynnig arall arni mewn munud.',
    choose: 'Dewiswch',
    picture: 'Dewiswch lun heb fod yn fwy na {n} MB.',
    sum: 'Faint yw {a} adio {b}?',
    sumWrong: 'Nid yw’r swm yn gywir. Mae’n cadw robotiaid draw.',
    numbers: 'dim un dau tri pedwar pump chwech saith wyth naw deg',
    copied: 'Wedi’i gopïo',
    play: 'Chwarae: {title}',
  },
  de: {
    close: 'Schließen',
    fill: 'Bitte füllen Sie das aus.',
    mail: 'Bitte in der Form name@example.org.',
    check: 'Bitte prüfen Sie das.',
    agree: 'Bitte ankreuzen, um fortzufahren.',
    unsent:
      'Das konnte nicht gesendet werden. Bitte prüfen Sie Ihre Verbindung und versuchen Sie es noch einmal.',
    later: 'Das konnte nicht gesendet werden. Bitte versuchen Sie es in einem Augenblick noch einmal.',
    choose: 'Auswählen',
    picture: 'Bitte ein Bild von höchstens {n} MB auswählen.',
    sum: 'Wie viel ist {a} und {b} zusammen?',
    sumWrong: 'Diese Summe stimmt nicht. Sie hält Roboter fern.',
    numbers: 'null eins zwei drei vier fünf sechs sieben acht neun zehn',
    copied: 'Kopiert',
    play: 'Abspielen: {title}',
  },
  fr: {
    close: 'Fermer',
    fill: 'Veuillez remplir ce champ.',
    mail: 'Veuillez l’écrire comme nom@example.org.',
    check: 'Veuillez vérifier ce champ.',
    agree: 'Veuillez cocher cette case pour continuer.',
    unsent: 'L’envoi n’a pas abouti. Vérifiez votre connexion et réessayez.',
    later: 'L’envoi n’a pas abouti. Réessayez dans un instant.',
    choose: 'Choisir',
    picture: 'Veuillez choisir une image de {n} Mo au plus.',
    sum: 'Combien font {a} et {b} ?',
    sumWrong: 'Ce calcul n’est pas juste. Il tient les robots à l’écart.',
    numbers: 'zéro un deux trois quatre cinq six sept huit neuf dix',
    copied: 'Copié',
    play: 'Lire : {title}',
  },
  es: {
    close: 'Cerrar',
    fill: 'Rellene este campo.',
    mail: 'Escríbalo como nombre@example.org.',
    check: 'Compruebe este campo.',
    agree: 'Marque esta casilla para continuar.',
    unsent: 'No se ha podido enviar. Compruebe su conexión e inténtelo de nuevo.',
    later: 'No se ha podido enviar. Inténtelo de nuevo en un momento.',
    choose: 'Elegir',
    picture: 'Elija una imagen de {n} MB como máximo.',
    sum: '¿Cuánto es {a} más {b}?',
    sumWrong: 'La suma no es correcta. Sirve para alejar a los robots.',
    numbers: 'cero uno dos tres cuatro cinco seis siete ocho nueve diez',
    copied: 'Copiado',
    play: 'Reproducir: {title}',
  },
  pl: {
    close: 'Zamknij',
    fill: 'Proszę to wypełnić.',
    mail: 'Proszę wpisać w postaci nazwa@example.org.',
    check: 'Proszę to sprawdzić.',
    agree: 'Proszę to zaznaczyć, aby przejść dalej.',
    unsent: 'Nie udało się tego wysłać. Proszę sprawdzić połączenie i spróbować ponownie.',
    later: 'Nie udało się tego wysłać. Proszę spróbować za chwilę.',
    choose: 'Wybierz',
    picture: 'Proszę wybrać obraz o wielkości najwyżej {n} MB.',
    sum: 'Ile to jest {a} plus {b}?',
    sumWrong: 'Ten wynik się nie zgadza. Chroni przed robotami.',
    numbers: 'zero jeden dwa trzy cztery pięć sześć siedem osiem dziewięć dziesięć',
    copied: 'Skopiowano',
    play: 'Odtwórz: {title}',
  },
  ar: {
    close: 'إغلاق',
    fill: 'يرجى ملء هذا الحقل.',
    mail: 'يرجى كتابته على شكل name@example.org.',
    check: 'يرجى التحقق من هذا الحقل.',
    agree: 'يرجى وضع علامة هنا للمتابعة.',
    unsent: 'تعذّر الإرسال. يرجى التحقق من الاتصال والمحاولة مرة أخرى.',
    later: 'تعذّر الإرسال. يرجى المحاولة مرة أخرى بعد قليل.',
    choose: 'اختر',
    picture: 'يرجى اختيار صورة لا تزيد على {n} م.ب.',
    sum: 'كم يساوي {a} زائد {b}؟',
    sumWrong: 'هذا الناتج غير صحيح. هذا السؤال يمنع الروبوتات.',
    numbers: 'صفر واحد اثنان ثلاثة أربعة خمسة ستة سبعة ثمانية تسعة عشرة',
    copied: 'تم النسخ',
    play: 'تشغيل: {title}',
  },
  he: {
    close: 'סגירה',
    fill: 'נא למלא שדה זה.',
    mail: 'נא לכתוב בצורה name@example.org.',
    check: 'נא לבדוק שדה זה.',
    agree: 'נא לסמן כאן כדי להמשיך.',
    unsent: 'השליחה לא הצליחה. נא לבדוק את החיבור ולנסות שוב.',
    later: 'השליחה לא הצליחה. נא לנסות שוב בעוד רגע.',
    choose: 'בחירה',
    picture: 'נא לבחור תמונה של {n} מ״ב לכל היותר.',
    sum: 'כמה זה {a} ועוד {b}?',
    sumWrong: 'התוצאה אינה נכונה. השאלה מרחיקה רובוטים.',
    numbers: 'אפס אחת שתיים שלוש ארבע חמש שש שבע שמונה תשע עשר',
    copied: 'הועתק',
    play: 'הפעלה: {title}',
  },
};

/** Languages in which messages need no words of the marketer's for what they say of themselves. */
export const SPOKEN: readonly string[] = Object.keys(WORDS);

/** What messages say of themselves in a language; `undefined` where nobody has written it. */
export const ownWordsIn = (language: string): Whole | undefined => WORDS[language.split('-')[0] ?? ''];

/** What it begins with where it is not one of the languages spoken. */
export const ENGLISH_WORDS = WORDS.en as Whole;

/** Which of the words a message says: those of its blocks, and of its way out. Its saved blocks must have been put in. */
export function wordsNeeded(message: Message): OwnWord[] {
  const blocks = allBlocks(message);
  const forms = blocks.filter((block) => block.kind === 'form');
  const asks = (kind: Field['kind']) =>
    forms.some(({ fields }) => fields.some((field) => field.kind === kind));
  const said: readonly (readonly [isSaid: boolean, ...words: OwnWord[]])[] = [
    [message.close.sign === 'cross', 'close'],
    [forms.length > 0, 'fill', 'check', 'unsent', 'later'],
    [asks('email'), 'mail'],
    [asks('select'), 'choose'],
    [asks('file'), 'picture'],
    [forms.some(({ consentText }) => consentText !== ''), 'agree'],
    [forms.some(({ asksSum }) => asksSum), 'sum', 'sumWrong', 'numbers'],
    [
      blocks.some((block) => block.kind === 'share' && block.ways.some(({ way }) => way === 'copy')),
      'copied',
    ],
    [blocks.some(({ kind }) => kind === 'film'), 'play'],
  ];
  return said.flatMap(([isSaid, ...words]) => (isSaid ? words : []));
}

/** Those of the words a file must carry: what English would say by itself is left out. */
export const carriedWords = (words: OwnWords): OwnWords | undefined => {
  const other = Object.entries(words).filter(([word, text]) => text !== ENGLISH_WORDS[word as OwnWord]);
  return other.length > 0 ? Object.fromEntries(other) : undefined;
};

/** What stands around an answer in each language: how it begins and ends, and what is said of a question nobody has agreed an answer to. */
interface Frame {
  /** of an answer to what had none */
  readonly subject: string;
  readonly greeting: (name: string) => string;
  readonly closing: string;
  readonly thanks: string;
  readonly asked: (question: string) => string;
  /** of an objection nothing is agreed on */
  readonly noted: string;
}
export const FRAMES = {
  en: {
    subject: 'Your question',
    greeting: (name) => `Hello ${name},`,
    closing: 'Kind regards',
    thanks: 'Thank you for your answer.',
    asked: (question) => `You ask: “${question}” I will ask a colleague and come back to you.`,
    noted: 'Thank you for saying so openly. I will talk it over with my colleagues and come back to you.',
  },
  de: {
    subject: 'Ihre Frage',
    greeting: (name) => `Hallo ${name},`,
    closing: 'Mit freundlichen Grüßen',
    thanks: 'vielen Dank für Ihre Antwort.',
    asked: (question) => `Sie fragen: „${question}“ Das kläre ich mit einem Kollegen und melde mich dann.`,
    noted: 'danke für die offenen Worte. Ich bespreche das mit meinen Kollegen und melde mich dann.',
  },
  nl: {
    subject: 'Uw vraag',
    greeting: (name) => `Beste ${name},`,
    closing: 'Met vriendelijke groet',
    thanks: 'Dank u voor uw antwoord.',
    asked: (question) => `U vraagt: “${question}” Dat vraag ik een collega, en dan kom ik erop terug.`,
    noted: 'Dank u voor uw open woorden. Ik bespreek het met mijn collega’s en kom erop terug.',
  },
  fr: {
    subject: 'Votre question',
    greeting: (name) => `Bonjour ${name},`,
    closing: 'Bien cordialement',
    thanks: 'Merci de votre réponse.',
    asked: (question) => `Vous demandez : « ${question} » Je pose la question à un collègue et reviens vers vous.`,
    noted: 'Merci de votre franchise. J’en parle avec mes collègues et reviens vers vous.',
  },
  es: {
    subject: 'Su pregunta',
    greeting: (name) => `Hola, ${name}:`,
    closing: 'Un saludo',
    thanks: 'Gracias por su respuesta.',
    asked: (question) => `Pregunta: «${question}» Lo consulto con un compañero y le contesto.`,
    noted: 'Gracias por decirlo con franqueza. Lo hablo con mis compañeros y le contesto.',
  },
} satisfies Readonly<Record<string, Frame>>;

export type FramedLanguage = keyof typeof FRAMES;
export const FRAMED = Object.keys(FRAMES) as readonly FramedLanguage[];
export const isFramed = (language: string): language is FramedLanguage => language in FRAMES;

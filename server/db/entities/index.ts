import { Attachment, Draft, LetterFact, LetterOffer, LetterReply, SentLetter, Slip, Wait } from "./answering";
import { AnswerTime, Calendar } from "./calendars";
import {
  Case,
  CaseEvent,
  Field,
  LackingValue,
  CaseInState,
  CaseLookup,
  DetailField,
  DetailSource,
  JunkSender,
  Presence,
} from "./cases";
import { StoredFile } from "./files";
import { Message } from "./messages";
import { AskedQuestion, CaseChange } from "./changes";
import { ContactForm, Forwarder, Mailbox, Question } from "./mailboxes";
import { Note, NoteMention } from "./notes";
import { CaseNotice, Notice, TimeEntry } from "./notices";
import { StandingAnswer, StandingDone, StandingMark, StandingOccasion } from "./standing";
import { Promised } from "./promises";
import { Chat } from "./chats";
import { Customer, CustomerAddress, Organisation } from "./customers";
import {
  BulkChange,
  FileUpload,
  ReplyEvent,
  HouseFact,
  HouseFactValue,
  Reply,
  ReplyAttachment,
  ReplyPin,
  ReplyVariant,
  ReplyVersion,
  Shelf,
  Signature,
  Stationery,
  UsualReply,
} from "./library";
import { Heartbeat, House, PasswordLink, Person, PhoneNumber, Session, SetupStep, Team } from "./people";

/** Every entity, for the ORM's configuration. */
export const entities = [
  House,
  Heartbeat,
  Team,
  Person,
  Session,
  PasswordLink,
  SetupStep,
  PhoneNumber,
  Organisation,
  Customer,
  CustomerAddress,
  Case,
  CaseEvent,
  Chat,
  StoredFile,
  Message,
  Field,
  LackingValue,
  TimeEntry,
  Notice,
  CaseNotice,
  DetailSource,
  DetailField,
  CaseLookup,
  Presence,
  Shelf,
  Reply,
  ReplyVersion,
  ReplyVariant,
  ReplyAttachment,
  HouseFact,
  HouseFactValue,
  Signature,
  Stationery,
  UsualReply,
  ReplyPin,
  FileUpload,
  ReplyEvent,
  BulkChange,
  Draft,
  Slip,
  SentLetter,
  LetterReply,
  LetterOffer,
  LetterFact,
  Wait,
  Attachment,
  Mailbox,
  CaseChange,
  ContactForm,
  Forwarder,
  Question,
  AskedQuestion,
  Calendar,
  AnswerTime,
  CaseInState,
  JunkSender,
  Note,
  NoteMention,
  Promised,
  StandingAnswer,
  StandingDone,
  StandingOccasion,
  StandingMark,
];

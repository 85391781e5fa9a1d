import { Attachment, Draft, LetterReply, SentLetter, Slip } from "./answering";
import { Case, CaseEvent, CaseField, CaseLookup, Message, Presence, StoredFile } from "./cases";
import { Customer, CustomerAddress, Organisation } from "./customers";
import {
  HouseFact,
  HouseFactValue,
  Reply,
  ReplyAttachment,
  ReplyVariant,
  ReplyVersion,
  Shelf,
  Signature,
  Stationery,
} from "./library";
import { Heartbeat, House, Person, Session, Team } from "./people";

/** Every entity, for the ORM's configuration. */
export const entities = [
  House,
  Heartbeat,
  Team,
  Person,
  Session,
  Organisation,
  Customer,
  CustomerAddress,
  Case,
  CaseEvent,
  StoredFile,
  Message,
  CaseField,
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
  Draft,
  Slip,
  SentLetter,
  LetterReply,
  Attachment,
];

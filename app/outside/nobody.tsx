export default function Nobody() {
  return (
    <p className="px-8 py-14 text-center font-serif text-lg text-soft">
      Whose mailbox? Choose one at the left.
    </p>
  );
}

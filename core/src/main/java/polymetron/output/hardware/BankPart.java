package polymetron.output.hardware;

import polymetron.elaborate.Field;

/** The bits of a word that are a field's, and those of the field; null where it has none in the word. */
record BankPart(int wordHigh, int wordLow, int fieldHigh, int fieldLow) {
    static BankPart of(BankPlace place, Field field) {
        int low = field.lowBit() + place.shift();
        int high = low + field.bits() - 1;
        int wordLow = Math.max(0, low);
        int wordHigh = Math.min(Integer.SIZE - 1, high);
        return wordLow > wordHigh
                ? null
                : new BankPart(wordHigh, wordLow, wordHigh - low, wordLow - low);
    }
}

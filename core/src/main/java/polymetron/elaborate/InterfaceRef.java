package polymetron.elaborate;

/** One port or interface of one block, written {@code block.name}. */
public record InterfaceRef(String block, String name) implements Comparable<InterfaceRef> {
    @Override
    public int compareTo(InterfaceRef other) {
        int byBlock = block.compareTo(other.block);
        return byBlock != 0 ? byBlock : name.compareTo(other.name);
    }

    @Override
    public String toString() {
        return block + "." + name;
    }

    /**
     * @throws IllegalArgumentException when the text is not of the form block.name
     */
    public static InterfaceRef parse(String text) {
        int dot = text == null ? -1 : text.indexOf('.');
        if (dot <= 0 || dot == text.length() - 1) {
            throw new IllegalArgumentException(
                    "'%s' names no interface; write block.name".formatted(text));
        }
        return new InterfaceRef(text.substring(0, dot), text.substring(dot + 1));
    }
}

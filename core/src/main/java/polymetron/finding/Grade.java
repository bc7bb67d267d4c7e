package polymetron.finding;

/** How bad a finding is, worst first. */
public enum Grade {
    ERROR("error"),
    WARNING("warning"),
    NOTE("note");

    private final String word;

    Grade(String word) {
        this.word = word;
    }

    @Override
    public String toString() {
        return word;
    }
}

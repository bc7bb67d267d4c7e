package polymetron.finding;

/** A rule whose words are given when it is made, so that a small check stays small. */
abstract class PlainRule implements Rule {
    private final String id;
    private final Grade grade;
    private final String title;
    private final String explanation;

    PlainRule(String id, Grade grade, String title, String explanation) {
        this.id = id;
        this.grade = grade;
        this.title = title;
        this.explanation = explanation;
    }

    @Override
    public String id() {
        return id;
    }

    @Override
    public Grade grade() {
        return grade;
    }

    @Override
    public String title() {
        return title;
    }

    @Override
    public String explanation() {
        return explanation;
    }
}

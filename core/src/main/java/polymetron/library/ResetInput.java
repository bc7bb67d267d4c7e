package polymetron.library;

/** A reset input of a block and the clock input that it is synchronous to. */
public record ResetInput(String name, String clock) {}

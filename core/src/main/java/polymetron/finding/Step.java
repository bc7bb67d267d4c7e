package polymetron.finding;

/** The step of the job that a finding stands in the way of, in the order of the views. */
public enum Step {
    COMPOSE("Compose"),
    ADDRESSES("Addresses"),
    INTERRUPTS("Interrupts"),
    CLOCKS("Clocks"),
    PINS("Pins"),
    FIT("Fit"),
    HAND_OFF("Hand-off");

    private final String view;

    Step(String view) {
        this.view = view;
    }

    /** The view in which it is looked at, as the interface calls it. */
    @Override
    public String toString() {
        return view;
    }
}

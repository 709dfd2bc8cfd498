package zander.core.phrase;

/** What came up while signing in at a server. */
public enum SignInPhrase implements Phrase.Key {
  ABOUT(2),
  AGENT_EMPTY,
  AGENT_ENDED,
  AGENT_KEY(1),
  AGENT_REFUSED,
  AGENT_UNREADABLE,
  CAME_INSTEAD(2),
  CANNOT_SIGN(1),
  CLOSED,
  COMMAND_ENDED(1),
  COMMAND_NOT_ALLOWED,
  GIVEN_UP,
  HUNG_UP_MEANWHILE,
  IN_THE_AGENT(1),
  LEFT_TO(1),
  LEFT_TO_A_COMMAND,
  NEW_PASSWORD_WANTED,
  NOT_EXPECTED,
  NO_ADDRESS,
  NO_KEY_CHOSEN,
  NO_SHELL(1),
  OFFERED_KEY(2),
  PORT_OF(2),
  SERVICE_AGAINST_PROTOCOL,
  SERVICE_ENDED,
  SERVICE_OF_VERSION(1),
  SERVICE_SILENT,
  SHELL_NOT_YET,
  THE_AGENT,
  TOO_MANY_QUESTIONS(1),
  VOUCHED_FOR(2),
  WANTS_MORE(1);

  private final int places;

  SignInPhrase() {
    this(0);
  }

  SignInPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}

package zander.core.phrase;

/** How files go to and from a server, and why. */
public enum CarrierPhrase implements Phrase.Key {
  AND(2),
  BY_REQUESTS(1),
  COULD_NOT_SIGN_IN(2),
  DIRECT_SIGNED_INTO(2),
  DIRECT_SIGNS_IN(2),
  LARGE_AS_STREAM,
  LARGE_IN_CHANNELS,
  LINE_OF(1),
  MANY_REQUESTS(1),
  MANY_REQUESTS_WITHOUT_TAR(1),
  NEAR_LINE,
  NO_SHELL,
  PACKED(3),
  PROGRAMS_UNUSABLE,
  SMALL_PACKED,
  SMALL_PACKED_COMPRESSED,
  TAR_UNUSABLE,
  VIA_LOCAL(1),
  VIA_LOCAL_SO(2);

  private final int places;

  CarrierPhrase() {
    this(0);
  }

  CarrierPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}

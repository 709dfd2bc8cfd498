package zander.desk.reach;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import zander.core.book.Mark;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.WayUp;

class EntryDraftTest {
  private static final ServerEntry FULL =
      new ServerEntry(
          "levels-web",
          "Public",
          Mark.LIVE,
          "warden",
          "levels.example",
          2222,
          List.of("gate", "deploy@inner.example"),
          new SignIn(".ssh/warden", ".ssh/cert.pub", true, false),
          "/srv",
          "site",
          "note",
          List.of(
              MarkedFolder.of("Site", "/srv/levels", "site", "https://levels.example/")
                  .withRights(List.of("* - web 0644"))),
          "web",
          Map.of("root", WayUp.SU, "web", WayUp.SUDO),
          "nc -x relay levels.example 2222");

  @Test
  void whatIsNotTouchedStaysAsItWas() {
    assertThat(new EntryDraft(FULL, "levels-web").entry()).isEqualTo(FULL);
    ServerEntry bare =
        ServerEntry.of("x", new ServerAddress("a", "h", 22), new SignIn(null, null, false, false));
    assertThat(new EntryDraft(bare, null).entry()).isEqualTo(bare);
  }

  @Test
  void blanksAreNothingAndTheHostNamesTheServer() {
    EntryDraft draft = new EntryDraft(null, null);
    draft.host.set("  gate.example ");
    draft.account.set(" warden ");
    draft.jump.set(" , outer ,, ");
    draft.landing.set("  ");
    draft.addFolder().name.set("a folder without a path is none");
    ServerEntry made = draft.entry();
    assertThat(made.name()).isEqualTo("gate.example");
    assertThat(made.account()).isEqualTo("warden");
    assertThat(made.jump()).containsExactly("outer");
    assertThat(made.landing()).isNull();
    assertThat(made.folders()).isEmpty();
    assertThat(made.signIn()).isEqualTo(new SignIn(null, null, true, true));
  }

  @Test
  void saysWhatIsMissingOrWrong() {
    EntryDraft draft = new EntryDraft(FULL, "levels-web");
    draft.port.set("0");
    assertThatThrownBy(draft::entry).hasMessageContaining("1 to 65535");
    draft.port.set("22x");
    assertThatThrownBy(draft::entry).hasMessageContaining("1 to 65535");
    draft.port.set("22");
    draft.landing.set("srv");
    assertThatThrownBy(draft::entry).hasMessageContaining("must begin with a slash");
    draft.landing.set("/srv");
    draft.folders().get(0).path.set("srv");
    assertThatThrownBy(draft::entry).hasMessageContaining("must begin with a slash");
    draft.folders().get(0).path.set("/srv");
    draft.account.set(" ");
    assertThatThrownBy(draft::entry).hasMessageContaining("account");
    draft.host.set("");
    assertThatThrownBy(draft::entry).hasMessageContaining("host");
  }
}

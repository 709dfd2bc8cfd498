package zander.core.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class RemotePathTest {
  @Test
  void dropsDotsAndSlashes() {
    assertThat(RemotePath.of("//srv/./levels//site/")).isEqualTo(RemotePath.of("/srv/levels/site"));
    assertThat(RemotePath.of("/srv/../etc")).isEqualTo(RemotePath.of("/etc"));
    assertThat(RemotePath.of("/../..")).isEqualTo(RemotePath.ROOT);
    assertThatThrownBy(() -> RemotePath.of("srv")).isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void goesUpAndDown() {
    RemotePath site = RemotePath.of("/srv/levels/site");
    assertThat(site.parent().text()).isEqualTo("/srv/levels");
    assertThat(RemotePath.of("/srv").parent()).isEqualTo(RemotePath.ROOT);
    assertThat(RemotePath.ROOT.parent()).isEqualTo(RemotePath.ROOT);
    assertThat(RemotePath.ROOT.child("srv").text()).isEqualTo("/srv");
    assertThat(site.chain())
        .extracting(RemotePath::name)
        .containsExactly("/", "srv", "levels", "site");
    assertThat(site.resolve("../feeds").text()).isEqualTo("/srv/levels/feeds");
    assertThat(site.resolve("/etc").text()).isEqualTo("/etc");
  }

  @Test
  void takesNoNameThatLeadsElsewhere() {
    for (String name : new String[] {"", ".", "..", "a/b", "nul\0"}) {
      assertThatThrownBy(() -> RemotePath.ROOT.child(name))
          .isInstanceOf(IllegalArgumentException.class);
    }
  }

  @Test
  void showsWhatCannotBeShown() {
    assertThat(WireName.toText(WireName.fromText("ünit\n\t\u202egnp")))
        .isEqualTo("ünit\\n\\t\\u202egnp");
    assertThat(WireName.toText("a\u00ff")).isEqualTo("a\\xff");
  }

  @Property(seed = "1")
  void anyBytesSurviveAsAName(@ForAll @Size(min = 1, max = 255) byte[] bytes) {
    String wire = WireName.fromBytes(bytes);
    assertThat(WireName.bytes(wire)).isEqualTo(bytes);
    if (WireName.isSafe(wire)) {
      RemotePath path = RemotePath.of("/srv").child(wire);
      assertThat(path.wireName()).isEqualTo(wire);
      assertThat(RemotePath.ofWire(path.wire())).isEqualTo(path);
      assertThat(path.name()).doesNotContain("\n");
    }
  }
}

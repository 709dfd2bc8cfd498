/** Which server keys are trusted: the user's {@code known_hosts}, read and written. */
@NullMarked
package zander.core.trust;

import org.jspecify.annotations.NullMarked;

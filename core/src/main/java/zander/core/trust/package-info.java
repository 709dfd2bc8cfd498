/** Which server keys are trusted: the user's {@code known_hosts}, read and written. */
package zander.core.trust;

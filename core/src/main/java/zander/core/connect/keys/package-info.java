/**
 * Key pairs of a person: reading private key files, locking and making them, certificates, and keys
 * that an agent holds.
 */
@NullMarked
package zander.core.connect.keys;

import org.jspecify.annotations.NullMarked;

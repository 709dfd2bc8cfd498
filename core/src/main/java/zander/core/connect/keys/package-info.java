/**
 * Key pairs of a person: reading private key files, locking and making them, certificates, and keys
 * that an agent holds.
 */
package zander.core.connect.keys;

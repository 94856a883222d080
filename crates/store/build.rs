//! The migrations are built into the program: a change of one must build it again.

fn main() {
    println!("cargo:rerun-if-changed=migrations");
}

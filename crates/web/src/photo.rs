//! Photographs made anew from what was sent: turned upright, no larger than a page shows, and with nothing of the sender's
//! file in them but the picture, so that place, camera and owner stay behind.

use std::io::Cursor;
use std::sync::LazyLock;
use std::time::Duration;

use image::codecs::jpeg::JpegEncoder;
use image::metadata::Orientation;
use image::{DynamicImage, GenericImageView, ImageDecoder, ImageReader, Limits};

use crate::error::WebError;
use crate::turns::Turns;

/// Most bytes of one photograph as sent.
pub(crate) const LARGEST_BYTES: u64 = 16 * 1024 * 1024;
/// Most pixels along one side as sent.
const LARGEST_SIDE: u32 = 12_000;
/// Most memory that a picture may take once it is read: 48 megapixels in color.
const MOST_MEMORY: u64 = 160 * 1024 * 1024;
/// Pictures read at once; the others wait, so that their memory does not add up.
const AT_ONCE: usize = 1;
/// Longest wait for a turn.
const LONGEST_WAIT: Duration = Duration::from_secs(30);
/// Longest side as kept.
const KEPT_SIDE: u32 = 1_600;
const QUALITY: u8 = 82;

/// A photograph to keep.
#[derive(Debug)]
pub(crate) struct Photo {
    pub(crate) jpeg: Vec<u8>,
    pub(crate) width: u32,
    pub(crate) height: u32,
}

/// Why what was sent is no photograph.
#[derive(Debug, PartialEq, Eq, thiserror::Error)]
pub(crate) enum PhotoError {
    #[error("That file is no photograph this program can read. Send a JPEG, PNG or WebP picture.")]
    NoPicture,
    #[error(
        "That picture is too large to read: at most 48 megapixels, and {LARGEST_SIDE} pixels along a side. Send a smaller one."
    )]
    TooLarge,
}

static TURNS: LazyLock<Turns> = LazyLock::new(|| Turns::new(AT_ONCE, LONGEST_WAIT));

/// Makes what was sent anew, off the threads that answer, when its turn comes.
///
/// # Errors     [`WebError::NoPhoto`]; [`WebError::Busy`] when no turn came in time
pub(crate) async fn remade(sent: Vec<u8>) -> Result<Photo, WebError> {
    let turn = TURNS.take().await?;
    let task = tokio::task::spawn_blocking(move || {
        let _turn = turn;
        remake(&sent)
    });
    task.await.map_err(|failed| WebError::Failed(failed.to_string()))?.map_err(WebError::NoPhoto)
}

/// Reads what was sent and makes it anew.
///
/// # Errors     [`PhotoError`], each a sentence for whoever sent it
pub(crate) fn remake(sent: &[u8]) -> Result<Photo, PhotoError> {
    let mut reader = ImageReader::new(Cursor::new(sent)).with_guessed_format().map_err(|_unreadable| PhotoError::NoPicture)?;
    let mut limits = Limits::default();
    (limits.max_image_width, limits.max_image_height) = (Some(LARGEST_SIDE), Some(LARGEST_SIDE));
    limits.max_alloc = Some(MOST_MEMORY);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(refused)?;
    // A decoder's limits hold for what it keeps beside the picture; the picture itself is asked about before it is made room for.
    if decoder.total_bytes() > MOST_MEMORY {
        return Err(PhotoError::TooLarge);
    }
    let orientation = decoder.orientation().unwrap_or(Orientation::NoTransforms);
    let picture = DynamicImage::from_decoder(decoder).map_err(refused)?;
    let mut picture = match picture.width().max(picture.height()) > KEPT_SIDE {
        true => picture.thumbnail(KEPT_SIDE, KEPT_SIDE),
        false => picture,
    };
    picture.apply_orientation(orientation);
    let (width, height) = picture.dimensions();
    let mut jpeg = Vec::new();
    picture.to_rgb8().write_with_encoder(JpegEncoder::new_with_quality(&mut jpeg, QUALITY)).map_err(refused)?;
    Ok(Photo { jpeg, width, height })
}

#[expect(clippy::needless_pass_by_value, reason = "for map_err")]
fn refused(error: image::ImageError) -> PhotoError {
    if matches!(error, image::ImageError::Limits(_)) { PhotoError::TooLarge } else { PhotoError::NoPicture }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A JPEG with an Exif block that says “turn me by 90°” and holds a place.
    fn sent(width: u32, height: u32) -> Vec<u8> {
        let mut jpeg = Vec::new();
        DynamicImage::new_rgb8(width, height).write_with_encoder(JpegEncoder::new(&mut jpeg)).unwrap();
        // Exif, little-endian, one entry: tag 0x0112 (orientation), short, 6 (turn clockwise).
        let mut exif = b"Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0\x06\0\0\0\0\0\0\0".to_vec();
        exif.extend(b"N 52 30.1 E 13 22.7");
        let length = u16::try_from(exif.len() + 2).unwrap().to_be_bytes();
        let marked: Vec<u8> = [0xFF, 0xE1].into_iter().chain(length).chain(exif).collect();
        let (start, rest) = jpeg.split_at(2);
        [start, &marked, rest].concat()
    }

    #[test]
    fn a_photograph_is_turned_upright_made_smaller_and_keeps_nothing_but_the_picture() {
        let sent = sent(3200, 800);
        assert!(sent.windows(4).any(|bytes| bytes == b"Exif"));
        let photo = remake(&sent).unwrap();
        assert_eq!((photo.width, photo.height), (400, 1600));
        assert!(!photo.jpeg.windows(4).any(|bytes| bytes == b"Exif"));
        assert!(!photo.jpeg.windows(9).any(|bytes| bytes == b"N 52 30.1"));
    }

    #[test]
    fn what_is_no_picture_or_too_large_is_refused_in_words() {
        assert_eq!(remake(b"%PDF-1.7 not a picture").unwrap_err(), PhotoError::NoPicture);
        let broken = &sent(300, 300)[..200];
        assert_eq!(remake(broken).unwrap_err(), PhotoError::NoPicture);
        let mut wide = Vec::new();
        DynamicImage::new_luma8(12_100, 1).write_to(&mut Cursor::new(&mut wide), image::ImageFormat::Png).unwrap();
        assert_eq!(remake(&wide).unwrap_err(), PhotoError::TooLarge);
    }

    /// The head of a PNG of that size in 16 bits of four colors; nothing of it need be there to know what it would take.
    fn head(width: u32, height: u32) -> Vec<u8> {
        let mut header = b"IHDR".to_vec();
        header.extend(width.to_be_bytes().into_iter().chain(height.to_be_bytes()).chain([16, 6, 0, 0, 0]));
        let mut crc = !0_u32;
        for byte in &header {
            crc = (0..8).fold(crc ^ u32::from(*byte), |crc, _| if crc & 1 == 1 { crc >> 1 ^ 0xEDB8_8320 } else { crc >> 1 });
        }
        let data = [&[0, 0, 0, 0][..], b"IDAT", &[0x35, 0xaf, 0x06, 0x1e]].concat();
        [b"\x89PNG\r\n\x1a\n\x00\x00\x00\x0d", &header[..], &(!crc).to_be_bytes(), &data].concat()
    }

    #[test]
    fn a_small_file_of_a_huge_picture_is_refused_before_room_is_made_for_it() {
        // 12,000 by 12,000 in 16 bits of four colors would take 1.15 GB.
        assert_eq!(remake(&head(12_000, 12_000)).unwrap_err(), PhotoError::TooLarge);
        assert_eq!(remake(&head(300, 300)).unwrap_err(), PhotoError::NoPicture, "it is its size that is refused, not its form");
    }
}

import { createTheme } from '@mui/material/styles';

const RADIUS = 4;

/** MUI in our own clothes: colours by CSS variables so that dark is a change of variables; flat, dense, no gradients. */
export const theme = createTheme({
  palette: {
    primary: { main: '#1F5F6B' },
    text: { primary: '#1B2624', secondary: '#56645F' },
    error: { main: '#A63D2F' },
    warning: { main: '#8F5A00' },
    success: { main: '#356B31' },
    background: { default: '#F4F5F2', paper: '#FFFFFF' },
  },
  shape: { borderRadius: RADIUS },
  typography: {
    fontFamily: "'Source Sans 3 Variable', sans-serif",
    fontSize: 14,
    button: { textTransform: 'none', fontWeight: 560, letterSpacing: 0 },
  },
  components: {
    MuiInputLabel: { defaultProps: { shrink: true } },
    MuiFormControlLabel: { styleOverrides: { label: { fontSize: 14 } } },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, size: 'small', variant: 'outlined' },
      styleOverrides: {
        root: {
          height: 30,
          padding: '0 12px',
          minWidth: 0,
          borderRadius: RADIUS,
          fontSize: 14,
          lineHeight: '20px',
          whiteSpace: 'nowrap',
          gap: 6,
          border: '1px solid var(--edge)',
          background: 'var(--paper)',
          color: 'var(--ink)',
          '&:hover': { background: 'var(--chosen)', borderColor: 'var(--w4)' },
          '&.Mui-focusVisible': { outline: '2px solid var(--w4)', outlineOffset: 1 },
          '&.Mui-disabled': { color: 'var(--quiet)', background: 'transparent', borderColor: 'var(--line)' },
          '&.MuiButton-contained': {
            background: '#1F5F6B',
            borderColor: '#1F5F6B',
            color: '#fff',
            '&:hover': { background: '#174A54', borderColor: '#174A54' },
            '&.Mui-disabled': { background: 'var(--line)', borderColor: 'var(--line)', color: 'var(--quiet)' },
          },
          '&.MuiButton-text': { borderColor: 'transparent', background: 'none', color: 'var(--river)' },
        },
      },
    },
    MuiOutlinedInput: {
      // Labels always stand above their field: the frame has its gap for them, and none where there is no label.
      defaultProps: { notched: true },
      styleOverrides: {
        root: {
          background: 'var(--paper)',
          color: 'var(--ink)',
          fontSize: 14,
          '& fieldset': { borderColor: 'var(--edge)' },
          '&:hover fieldset': { borderColor: 'var(--w4) !important' },
          '&.Mui-focused fieldset': { borderColor: 'var(--river) !important', borderWidth: 1 },
        },
        input: { padding: '5px 8px', height: 30, '&::placeholder': { color: 'var(--quiet)', opacity: 1 } },
        multiline: { padding: '6px 8px', '& textarea': { padding: 0 } },
      },
    },
    // What a field that is closed says of itself is read all the same.
    MuiFormHelperText: { styleOverrides: { root: { color: 'var(--quiet)', '&.Mui-disabled': { color: 'var(--quiet)' } } } },
    MuiSelect: {
      styleOverrides: {
        select: { padding: '4px 26px 4px 8px', minHeight: '20px !important', fontWeight: 560 },
        icon: { color: 'var(--quiet)', fontSize: 18 },
      },
    },
    MuiMenu: {
      styleOverrides: {
        paper: {
          border: '1px solid var(--line)',
          boxShadow: '0 6px 20px rgb(27 38 36 / 14%)',
          background: 'var(--paper)',
          color: 'var(--ink)',
        },
      },
    },
    MuiPopover: {
      styleOverrides: {
        paper: {
          border: '1px solid var(--line)',
          boxShadow: '0 6px 20px rgb(27 38 36 / 14%)',
          background: 'var(--paper)',
          color: 'var(--ink)',
        },
      },
    },
    MuiMenuItem: { styleOverrides: { root: { minHeight: 30, fontSize: 14, padding: '4px 12px' } } },
    MuiTooltip: {
      defaultProps: { arrow: false, enterDelay: 300 },
      styleOverrides: {
        tooltip: {
          background: '#1B2624',
          color: '#F4F5F2',
          fontSize: 12,
          lineHeight: '17px',
          borderRadius: RADIUS,
          padding: '5px 8px',
          maxWidth: 340,
        },
      },
    },
  },
});

-- IEEE 1076-1993 clause 8.8: a signal cannot be one
entity t is end;
architecture a of t is
  signal i, j : integer range 0 to 3;
begin
  process (i) begin
    case i is
      when j => report "same"; --! constant
      when others => null;
    end case;
  end process;
end;

-- IEEE 1076-1993 clause 8.8: in two arms
entity t is end;
architecture a of t is
  signal i : integer range 0 to 3;
begin
  process (i) begin
    case i is
      when 0 to 2 => report "low";
      when 2 | 3 => report "high"; --! duplicate-choice
    end case;
  end process;
end;

-- IEEE 1076-1993 clause 8.8: no arm after it
entity t is end;
architecture a of t is
  signal i : integer range 0 to 3;
begin
  process (i) begin
    case i is --! others
      when others => null;
      when 1 => report "one";
    end case;
  end process;
end;

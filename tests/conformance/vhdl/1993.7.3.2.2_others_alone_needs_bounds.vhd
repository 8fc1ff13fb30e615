-- IEEE 1076-1993 clause 7.3.2.2: where nothing says how long it is
entity t is end;
architecture a of t is
  procedure p(x : bit_vector) is
  begin
    null;
  end;
begin
  process begin
    p((others => '0')); --! others
    wait;
  end process;
end;

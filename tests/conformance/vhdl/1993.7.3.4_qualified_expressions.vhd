-- IEEE 1076-1993 clause 7.3.4: say which type is meant
entity t is end;
architecture a of t is
  procedure show(x : bit_vector) is
  begin
    report "bits";
  end;
  procedure show(x : string) is
  begin
    report "text";
  end;
begin
  process begin
    show(bit_vector'("01"));
    show(string'("01"));
    wait;
  end process;
end;
--> note: bits
--> note: text

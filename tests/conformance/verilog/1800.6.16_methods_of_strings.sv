// IEEE 1800-2017 clause 6.16: putc, getc, toupper, tolower, compare, icompare, substr, numbers
module t;
  string s = "Lock 12";
  initial begin
    $display("%s %s %c %0d", s.toupper(), s.tolower, s.getc(1), s[0]);
    $display("%s|%s|", s.substr(2, 5), s.substr(5, 9));
    $display("%0d %0d", s.compare("Lock"), s.icompare("LOCK 12"));
    s.putc(0, "R");
    $display("%s", s);
    s = "2a";
    $display("%0d %0d %0d", s.atoi(), s.atohex(), s.atobin());
    s.itoa(-40);
    $write("%s ", s);
    s.hextoa(255);
    $display("%s", s);
  end
endmodule
//> LOCK 12 lock 12 o 76
//> ck 1||
//> 1 0
//> Rock 12
//> 2 42 0
//> -40 ff

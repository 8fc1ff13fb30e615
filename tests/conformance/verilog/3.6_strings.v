// IEEE 1364-2005 clause 3.6: strings are numbers of eight bits a character, padded on the left with zeros
module t;
  reg [8*14:1] s;
  reg [8*3:1] c;
  initial begin
    s = "Hello world";
    $display("%s is %h", s, s);
    s = {s, "!!!"};
    $display("%s is %h", s, s);
    c = "abcd";
    $display("%s|%0s|", c, c);
    $display("%0d %b", "A", "A" == 8'h41);
    $display("tab\tquote\"back\\ oct\101 pct%%");
    $display("%s|%0s|", 32'h41, 32'h41);
    $display("%0d", "");
    if ("ab" < "b") $display("less"); else $display("more");
  end
endmodule
//>    Hello world is 00000048656c6c6f20776f726c64
//> Hello world!!! is 48656c6c6f20776f726c64212121
//> bcd|bcd|
//> 65 1
//> tab	quote"back\ octA pct%
//>    A|A|
//> 0
//> more

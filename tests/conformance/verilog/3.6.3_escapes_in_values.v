// IEEE 1364-2005 clause 3.6.3: an escape is one character wherever the string stands, as a value too
module t;
  reg [15:0] word;
  reg choice;
  initial begin
    word = "\n";
    choice = 1;
    $display("%h %h", word, choice ? "\t" : "\\");
    $display("%0d", "\101" == "A");
    $write("%s.", {"\"", "\n"});
  end
endmodule
//> 000a 09
//> 1
//> "
//> .

// IEEE 1800-2017 clause 21.2.1.5: %s takes a string or digits, with a width on either side
module t;
  string s = "gate";
  initial begin
    $display("[%s] [%8s] [%-8s]", s, s, s);
    $display("%s%s", "a", 8'h62);
  end
endmodule
//> [gate] [    gate] [gate    ]
//> ab
